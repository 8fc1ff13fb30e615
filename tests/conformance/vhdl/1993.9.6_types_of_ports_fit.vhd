-- IEEE 1076-1993 clause 9.6: a vector does not connect to a bit
entity m is
  port (x : in bit);
end;
architecture a of m is
begin
end;
entity t is end;
architecture a of t is
  signal p : bit_vector(1 downto 0);
begin
  u : entity work.m port map (p); --! type
end;
