-- IEEE 1076-1993 clause 14.3: lines, reading and writing of values, files
use std.textio.all;
library ieee;
use ieee.std_logic_1164.all;
use ieee.std_logic_textio.all;
entity textio is end entity;
architecture test of textio is
begin
  process
    file f : text;
    variable l : line;
    variable i : integer;
    variable b : bit_vector(3 downto 0);
    variable v : std_logic_vector(7 downto 0);
    variable ok : boolean;
    variable r : real;
    variable t : time;
    variable c : character;
    variable s : string(1 to 3);
    variable status : file_open_status;
  begin
    write(l, string'("n = ")); write(l, 42); write(l, 7, right, 5); write(l, 8, left, 3); write(l, string'("|"));
    writeline(output, l);
    write(l, bit_vector'("1010")); write(l, ' '); write(l, true); write(l, string'(" ")); write(l, 15 ns); write(l, string'(" ")); write(l, 1500 ps, right, 0, ns);
    writeline(output, l);
    v := x"A5";
    write(l, v); write(l, string'(" ")); hwrite(l, v); write(l, string'(" ")); owrite(l, v);
    writeline(output, l);
    write(l, 3.25, right, 0, 2);
    writeline(output, l);
    file_open(f, "data.txt", write_mode);
    write(l, string'("12 -5 1011 FF")); writeline(f, l);
    write(l, string'("2.5 10 ns x yes")); writeline(f, l);
    write(l, string'("abcdef")); writeline(f, l);
    file_close(f);
    file_open(status, f, "data.txt", read_mode);
    report file_open_status'image(status);
    readline(f, l);
    read(l, i); report integer'image(i);
    read(l, i, ok); report integer'image(i) & " " & boolean'image(ok);
    read(l, b); report to_string(b);
    hread(l, v); report to_string(v);
    read(l, i, ok); report boolean'image(ok);
    readline(f, l);
    read(l, r); read(l, t); read(l, c); read(l, c);
    report integer'image(integer(r * 2.0)) & " " & time'image(t) & " " & c;
    readline(f, l);
    read(l, s); report s & " " & integer'image(l'length);
    report boolean'image(endfile(f));
    file_close(f);
    file_open(status, f, "nowhere.txt", read_mode);
    report file_open_status'image(status);
    deallocate(l);
    wait;
  end process;
end architecture;
--> n = 42    78  |
--> 1010 TRUE 15 ns 1.5 ns
--> 10100101 A5 245
--> 3.25
--> note: open_ok
--> note: 12
--> note: -5 true
--> note: 1011
--> note: 11111111
--> note: false
--> note: 5 10000000 fs x
--> note: abc 3
--> note: true
--> note: name_error
