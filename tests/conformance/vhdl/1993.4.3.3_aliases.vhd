-- IEEE 1076-1993 clause 4.3.3: aliases of arrays under bounds of their own, known only in the run or before it, read and written
library ieee; use ieee.std_logic_1164.all; use ieee.numeric_std.all;
entity tb is end entity;
architecture a of tb is
  signal s : std_logic_vector(5 downto 0) := "000000";
  procedure show(v : std_logic_vector) is
    alias up : std_logic_vector(1 to v'length) is v;
    alias down : std_logic_vector(v'length downto 1) is v;
    alias own : std_logic_vector(v'range) is v;
  begin
    report to_string(up(1)) & to_string(up(v'length)) & " " & to_string(up(2 to 3)) & " " & integer'image(up'left) & integer'image(up'right) & " "
      & to_string(down(1)) & to_string(down(3 downto 2)) & " " & to_string(own(own'left)) & " " & to_string(up) & to_string(down);
  end procedure;
  procedure set(v : inout std_logic_vector) is
    alias up : std_logic_vector(0 to v'length - 1) is v;
  begin
    up(0) := '1'; up(1 to 2) := "01"; up(v'length - 1) := 'H';
  end procedure;
  procedure fill(v : out std_logic_vector) is
    alias down : std_logic_vector(v'length downto 1) is v;
  begin
    down := (1 => '1', others => '0');
  end procedure;
  procedure drive(signal v : out std_logic_vector) is
    alias up : std_logic_vector(1 to v'length) is v;
  begin
    up(1) <= '1'; up(3 to 4) <= "11";
  end procedure;
  function first(v : std_logic_vector) return integer is begin return v'left; end function;
  function parity(v : std_logic_vector) return std_logic is
    alias w : std_logic_vector(v'length - 1 downto 0) is v; variable p : std_logic := '0';
  begin
    for i in w'range loop p := p xor w(i); end loop;
    return p;
  end function;
begin
  process
    variable v : std_logic_vector(7 downto 4) := "1010"; variable w : std_logic_vector(0 to 3) := "0110"; variable x : std_logic_vector(9 to 12) := "0001";
    alias fixed : std_logic_vector(3 downto 0) is w; alias part : std_logic_vector(1 downto 0) is v(6 downto 5); alias again : std_logic_vector(10 to 13) is fixed;
  begin
    show(v); show(w); show(x);
    set(v); report to_string(v) & " " & integer'image(v'left); set(w); report to_string(w); fill(w); report to_string(w); fill(v); report to_string(v);
    w := "0110"; fixed(3) := '1'; fixed(1 downto 0) := "01"; report to_string(w); fixed := "0011"; report to_string(w) & to_string(fixed(3)) & to_string(again(13));
    part := "11"; report to_string(v); again(10 to 11) := "11"; report to_string(w);
    report integer'image(first(fixed(2 downto 1))) & " " & integer'image(first(again(11 to 12))) & " " & to_string(parity(v)) & to_string(parity(x));
    drive(s); wait for 1 ns; report to_string(s);
    wait;
  end process;
end architecture;
--> note: 10 01 14 001 1 10101010
--> note: 00 11 14 011 0 01100110
--> note: 01 00 14 100 0 00010001
--> note: 101H 7
--> note: 101H
--> note: 0001
--> note: 0001
--> note: 1101
--> note: 001101
--> note: 0111
--> note: 1111
--> note: 2 11 11
--> note: 101100
