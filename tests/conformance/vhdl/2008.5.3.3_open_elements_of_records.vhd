-- IEEE 1076-2008 clause 5.3.3: a record may leave the length of its vectors open
library ieee;
use ieee.std_logic_1164.all;
package p is
  type item is record
    data : std_logic_vector;
    n : integer;
  end record;
end package;
library ieee;
use ieee.std_logic_1164.all;
use work.p.all;
entity sub is
  port (i : in item(data(3 downto 0)); o : out std_logic_vector(3 downto 0));
end;
architecture x of sub is
begin
  o <= not i.data when i.n > 0 else i.data;
end;
library ieee;
use ieee.std_logic_1164.all;
use work.p.all;
entity t is end;
architecture a of t is
  signal s : item(data(3 downto 0)) := (data => "0001", n => 2);
  signal y : std_logic_vector(3 downto 0);
begin
  u : entity work.sub port map (s, y);
  process
    variable w : item(data(7 downto 0));
  begin
    wait for 1 ns;
    report to_string(y) & " " & integer'image(w.data'length);
    s.data <= "1000";
    s.n <= 0;
    wait for 1 ns;
    report to_string(y);
    s <= (n => 1, data => "0110");
    wait for 1 ns;
    report to_string(y);
    wait;
  end process;
end;
--> note: 1110 8
--> note: 1000
--> note: 1001
