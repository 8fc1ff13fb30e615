-- IEEE 1076-1993 clause 9.6: a name that the entity does not have
entity m is
  port (x : in bit);
end;
architecture a of m is
begin
end;
entity t is end;
architecture a of t is
  signal p : bit;
begin
  u : entity work.m port map (d => p); --! port
end;
