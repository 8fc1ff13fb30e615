-- IEEE 1076-1993 clause 8.4: an aggregate of names takes a vector apart
entity t is end;
architecture a of t is
  signal p, q : bit;
  signal v : bit_vector(1 downto 0) := "10";
begin
  (p, q) <= v;
  process begin
    wait for 1 ns;
    report bit'image(p) & bit'image(q);
    wait;
  end process;
end;
--> note: '1''0'
