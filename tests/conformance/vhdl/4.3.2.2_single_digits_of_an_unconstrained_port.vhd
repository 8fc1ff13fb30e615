-- IEEE 1076-1993 clause 4.3.2.2, 3.2.1.1: the range of a port comes from what is connected
entity part is port (a : in bit_vector; y : out bit); end;
architecture r of part is begin
  process (a) variable x : bit; begin
    x := '0'; for i in a'range loop x := x xor a(i); end loop; y <= x;
  end process;
end;
entity t is end;
architecture r of t is
  signal p, q, s, z : bit; signal v : bit_vector(4 to 5); signal w : bit;
begin
  u : entity work.part port map (a(0) => p, a(1) => q, a(2) => s, y => z);
  k : entity work.part port map (a => v, y => w);
  process begin
    p <= '1'; s <= '1'; q <= '1'; v <= "10"; wait for 1 ns;
    report bit'image(z) & bit'image(w); wait;
  end process;
end;
--> note: '1''1'
