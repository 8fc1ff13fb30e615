-- IEEE 1076-1993 clause 12.3: a failure while a constant is worked out ends the run before it begins (exit 1)
entity tb is end entity;
architecture a of tb is
  function checked(n : integer) return integer is begin assert n < 8 report "too many" severity failure; return n; end function;
  constant c : integer := checked(9);
begin
  process begin report "never" & integer'image(c); wait; end process;
end architecture;
--> failure: too many
