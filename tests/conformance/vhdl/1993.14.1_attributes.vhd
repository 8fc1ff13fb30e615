-- IEEE 1076-1993 clause 14.1: attributes of types, arrays and signals
entity attributes is end entity;
architecture test of attributes is
  type colour is (red, green, blue, white);
  subtype warm is colour range red to green;
  type matrix is array (1 to 3, 7 downto 4) of integer;
  signal m : matrix;
  signal v : bit_vector(11 downto 4);
  signal s : bit := '0';
  signal pair : bit_vector(1 downto 0) := "00";
begin
  process begin
    report colour'image(colour'left) & colour'image(colour'right) & " " & colour'image(warm'high) & " " & integer'image(colour'pos(blue));
    report colour'image(colour'val(3)) & " " & colour'image(colour'succ(red)) & " " & colour'image(colour'pred(blue)) & " " & colour'image(colour'rightof(green));
    report integer'image(m'length(1)) & " " & integer'image(m'length(2)) & " " & integer'image(m'left(2)) & " " & integer'image(m'right(2)) & " " & integer'image(m'low(2));
    report integer'image(v'left) & " " & integer'image(v'low) & " " & integer'image(v'length) & " " & boolean'image(v'ascending);
    report integer'image(integer'value("  42 ")) & " " & colour'image(colour'value("Blue")) & " " & boolean'image(boolean'value("TRUE"));
    s <= '1' after 5 ns;
    wait on s;
    report boolean'image(s'event) & " " & bit'image(s'last_value) & " " & boolean'image(s'stable);
    wait for 3 ns;
    report boolean'image(s'event) & " " & integer'image(s'last_event / 1 ns) & " " & boolean'image(s'stable(2 ns)) & " " & boolean'image(s'stable(10 ns));
    s <= '1';
    wait for 0 ns;
    report "active " & boolean'image(s'active) & " event " & boolean'image(s'event);
    for i in v'reverse_range loop
      if i < 6 then report "i " & integer'image(i); end if;
    end loop;
    pair(0) <= '1'; wait for 1 ns; pair(1) <= '1'; wait for 1 ns;
    report bit'image(pair(0)'last_value) & bit'image(pair(1)'last_value) & " " & integer'image(pair(1)'last_event / 1 ns);
    wait;
  end process;
end architecture;
--> note: redwhite green 2
--> note: white green green blue
--> note: 3 4 7 4 4
--> note: 11 4 8 false
--> note: 42 blue true
--> note: true '0' false
--> note: false 3 true false
--> note: active true event false
--> note: i 4
--> note: i 5
--> note: '0''0' 1
