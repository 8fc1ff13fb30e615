-- IEEE 1076-1993 clause 4.3.2.2: both sides are of one type
entity part is port (a, b : in bit; y : out bit); end;
architecture r of part is begin y <= a and b; end;
entity t is end;
architecture r of t is
  signal q, z : bit; signal n : integer;
begin
  u : entity work.part port map (n, q, z); --! type
end;
