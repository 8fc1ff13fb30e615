-- IEEE 1076.3 clauses 5 to 8: arithmetic, comparison, shifts, conversion of unsigned and signed
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity numeric is end entity;
architecture test of numeric is
begin
  process
    variable a, b : unsigned(3 downto 0);
    variable s, r : signed(3 downto 0);
    variable w : unsigned(7 downto 0);
  begin
    a := "1100"; b := "0101"; s := "1100"; r := "0101";
    report to_string(a + b) & " " & to_string(a - b) & " " & to_string(b - a) & " " & to_string(a * b);
    report to_string(a / b) & " " & to_string(a mod b) & " " & to_string(a rem b);
    report to_string(s + r) & " " & to_string(s * r) & " " & to_string(s / 3) & " " & to_string(s mod r) & " " & to_string(s rem r);
    report to_string(-s) & " " & to_string(abs s) & " " & to_string(signed'("1000") - 1);
    report boolean'image(a > b) & boolean'image(s > r) & boolean'image(s = -4) & boolean'image(a = 12) & boolean'image(unsigned'("00101") = b);
    report to_string(shift_left(a, 1)) & " " & to_string(shift_right(a, 2)) & " " & to_string(shift_right(s, 2)) & " " & to_string(rotate_left(a, 1)) & " " & to_string(rotate_right(b, 1));
    report to_string(resize(a, 6)) & " " & to_string(resize(s, 6)) & " " & to_string(resize(s, 3)) & " " & to_string(resize(signed'("0111"), 2));
    report integer'image(to_integer(a)) & " " & integer'image(to_integer(s)) & " " & to_string(to_unsigned(9, 4)) & " " & to_string(to_signed(-3, 4));
    w := a & b;
    report to_string(w) & " " & to_hstring(w) & " " & to_string(not a) & " " & to_string(a and b) & " " & to_string(a xor "1111");
    report to_string(std_logic_vector(a + 1)) & " " & to_string(a + "0001") & " " & to_string(1 + a) & " " & to_string(a sll 1) & " " & to_string(a srl 1);
    a := "1X00";
    report to_string(a + 1) & " " & to_string(a and "0111") & " " & to_string(resize(a, 5));
    report boolean'image(std_match(a, "1-00")) & " " & to_string(to_01(a, '0'));
    wait;
  end process;
end architecture;
--> note: 0001 0111 1001 00111100
--> note: 0010 0010 0010
--> note: 0001 11101100 1111 0001 1100
--> note: 0100 0100 0111
--> note: truefalsetruetruetrue
--> note: 1000 0011 1111 1001 1010
--> note: 001100 111100 100 01
--> note: 12 -4 1001 1101
--> note: 11000101 C5 0011 0100 0011
--> note: 1101 1101 1101 1000 0110
--> note: XXXX 0X00 01X00
--> note: true 0000
