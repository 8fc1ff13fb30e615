-- IEEE 1076-1993 clause 3.4.1 and 14.3: WRITE of a text file puts characters as they are, between lines that WRITELINE wrote
use std.textio.all;
entity tb is end entity;
architecture a of tb is begin
  process
    file f : text open write_mode is "log.txt"; file g : text; variable l : line; variable s : string(1 to 3);
  begin
    write(l, string'("one")); writeline(f, l); write(f, "two" & LF); write(f, "th"); write(f, "ree" & LF); write(l, 4); writeline(f, l); file_close(f);
    file_open(g, "log.txt", read_mode);
    while not endfile(g) loop readline(g, l); write(output, l.all & LF); end loop;
    write(output, "end" & LF);
    wait;
  end process;
end architecture;
--> one
--> two
--> three
--> 4
--> end
