-- IEEE 1076-1993 clause 4.3.2.2: no port twice
entity part is port (a, b : in bit; y : out bit); end;
architecture r of part is begin y <= a and b; end;
entity t is end;
architecture r of t is
  signal p, q, z : bit;
begin
  u : entity work.part port map (p, q, a => p, y => z); --! connected twice
end;
