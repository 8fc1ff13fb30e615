-- IEEE 1076-1993 clause 7.4: a range may be computed
entity t is end;
architecture a of t is
  constant n : integer := 2 ** 3;
  signal v : bit_vector(n - 1 downto 0);
begin
  process begin
    report integer'image(v'length) & integer'image(v'left);
    wait;
  end process;
end;
--> note: 87
