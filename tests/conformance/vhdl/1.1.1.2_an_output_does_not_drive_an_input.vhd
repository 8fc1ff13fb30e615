-- IEEE 1076-1993 clause 1.1.1.2: an input of the outer unit is only read
entity part is port (a, b : in bit; y : out bit); end;
architecture r of part is begin y <= a and b; end;
entity t is port (p : in bit; q : in bit); end;
architecture r of t is
begin
  u : entity work.part port map (p, p, q); --! which is an input
end;
