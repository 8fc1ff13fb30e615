-- IEEE 1076-1993 clause 1.1.1.2: an output may be open, an input with a default too
entity part is port (a : in bit; b : in bit := '1'; y : out bit; n : out bit); end;
architecture r of part is begin y <= a and b; n <= not a; end;
entity t is end;
architecture r of t is
  signal p, z : bit;
begin
  u : entity work.part port map (a => p, b => open, y => z, n => open);
  process begin
    wait for 1 ns; report bit'image(z); p <= '1'; wait for 1 ns; report bit'image(z); wait;
  end process;
end;
--> note: '0'
--> note: '1'
