-- IEEE 1076-2008 clause 13.3: a context declaration, and the clause that takes it in
context lock_context is
  library ieee;
  use ieee.std_logic_1164.all, ieee.numeric_std.all;
end context lock_context;
context work.lock_context;
entity t is end;
architecture a of t is
  signal n : unsigned(3 downto 0) := "0101";
begin
  process begin
    report integer'image(to_integer(n + 1));
    wait;
  end process;
end;
--> note: 6
