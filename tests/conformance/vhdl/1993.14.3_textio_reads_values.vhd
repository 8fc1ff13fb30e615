-- IEEE 1076-1993 clause 14.3: from a line, skipping blanks
use std.textio.all;
entity t is end;
architecture a of t is
begin
  process
    variable l : line;
    variable i : integer;
    variable ok : boolean;
  begin
    l := new string'("  17 x");
    read(l, i);
    report integer'image(i);
    read(l, i, ok);
    report boolean'image(ok);
    wait;
  end process;
end;
--> note: 17
--> note: false
