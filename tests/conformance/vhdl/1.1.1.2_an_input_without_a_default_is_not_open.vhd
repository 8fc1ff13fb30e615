-- IEEE 1076-1993 clause 1.1.1.2: an input that nobody drives needs a default
entity part is port (a, b : in bit; y : out bit); end;
architecture r of part is begin y <= a and b; end;
entity t is end;
architecture r of t is
  signal p, q, z : bit;
begin
  u : entity work.part port map (a => p, b => open, y => z); --! open
end;
