-- IEEE 1076-2008 clauses 9.2.2, 9.2.3, 9.2.9, 10.5.3, 10.6.3, 10.9 and 15.8: the newer ways to say things
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity sequential_2008 is
  port (y : out std_logic_vector(3 downto 0));
end entity;
architecture test of sequential_2008 is
  signal a : std_logic_vector(3 downto 0) := "1010";
  signal go : std_logic := '1';
begin
  process
    variable v : std_logic_vector(7 downto 0);
    variable n : integer;
  begin
    y <= "0001" when go else "0010";
    wait for 1 ns;
    report to_string(y);
    with a select v := x"11" when "0000", 8x"F" when "1010", 8sx"F" when others;
    report to_string(v) & " " & to_string(6b"11") & " " & to_string(12ux"F-") & " " & to_string(5d"19");
    n := 5 when a(0) else 6;
    report integer'image(n) & " " & std_logic'image(and a) & std_logic'image(or a) & std_logic'image(xor a) & std_logic'image(nor std_logic_vector'("000"));
    case? a is
      when "1--0" => report "matched";
      when others => report "other";
    end case?;
    if a(3) and not a(2) then report "condition"; end if;
    report to_string(a and '1') & " " & std_logic'image(a ?= "1-1-") & " " & integer'image(maximum(3, 7)) & " " & integer'image(minimum(3, 7));
    report to_string(42) & " " & to_string(true) & " " & to_string(now);
    /* a comment
       over two lines */
    wait;
  end process;
end architecture;
--> note: 0001
--> note: 00001111 000011 00001111---- 10011
--> note: 6 '0''1''0''1'
--> note: matched
--> note: condition
--> note: 1010 '1' 7 3
--> note: 42 true 1000000 fs
