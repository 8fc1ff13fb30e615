-- IEEE 1076.3 clause 4 and 1164: unknown operands, and what the packages say of them
library ieee;
use ieee.std_logic_1164.all;
use ieee.numeric_std.all;
entity metavalues is end entity;
architecture test of metavalues is
  signal u : unsigned(2 downto 0);
begin
  process
    variable l : std_logic := 'L';
  begin
    report integer'image(to_integer(u));
    report boolean'image(u = 0) & boolean'image(u /= 0);
    report to_string(u + 1);
    report std_logic'image(l and '1') & std_logic'image('H' and '1') & std_logic'image('Z' or '0') & std_logic'image('U' and '0') & std_logic'image(not 'W');
    report boolean'image(l = '0') & boolean'image(to_x01(l) = '0') & boolean'image(is_x('Z')) & boolean'image(is_x(std_logic_vector'("01LH")));
    report std_logic'image('1' ?= 'H') & std_logic'image('-' ?= 'U') & std_logic'image('X' ?= '1') & std_logic'image(std_logic_vector'("1-0") ?= "110");
    report to_string(to_x01(std_logic_vector'("UX01ZWLH-"))) & " " & to_string(to_bitvector("LH01XZ"));
    wait;
  end process;
end architecture;
--> warning: NUMERIC_STD.TO_INTEGER: metavalue detected, returning 0
--> note: 0
--> warning: NUMERIC_STD."=": metavalue detected, returning FALSE
--> warning: NUMERIC_STD."/=": metavalue detected, returning TRUE
--> note: falsetrue
--> note: XXX
--> note: '0''1''X''0''X'
--> note: falsetruetruefalse
--> note: '1''1''X''1'
--> note: XX01XX01X 010100
