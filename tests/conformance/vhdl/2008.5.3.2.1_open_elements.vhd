-- IEEE 1076-2008 clause 5.3.2.1: an array of vectors may leave their length open; the object says it
library ieee;
use ieee.std_logic_1164.all;
package p is
  type words is array (natural range <>) of std_logic_vector;
end package;
library ieee;
use ieee.std_logic_1164.all;
use work.p.all;
entity t is end;
architecture a of t is
  signal w : words(0 to 2)(7 downto 0) := (others => (others => '0'));
  subtype two is words(0 to 1)(3 downto 0);
  signal v : two;
  constant c : words := ("001", "110");
begin
  process
  begin
    w(1) <= x"a5";
    v(0) <= "0110";
    wait for 1 ns;
    report to_string(w(1)) & " " & to_string(w(2)) & " " & to_string(v(0)) & " " & to_string(c(1));
    report integer'image(w(0)'length) & integer'image(v(0)'length) & integer'image(c'length);
    wait;
  end process;
end;
--> note: 10100101 00000000 0110 110
--> note: 842
