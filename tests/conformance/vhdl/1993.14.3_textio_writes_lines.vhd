-- IEEE 1076-1993 clause 14.3: parts first, then the line
use std.textio.all;
entity t is end;
architecture a of t is
begin
  process
    variable l : line;
  begin
    write(l, string'("n="));
    write(l, 42, right, 5);
    write(l, 7, left, 3);
    write(l, string'("|"));
    writeline(output, l);
    wait;
  end process;
end;
--> n=   427  |
