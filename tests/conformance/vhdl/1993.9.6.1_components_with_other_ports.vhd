-- IEEE 1076-1993 clause 9.6.1: the entity must have each of them
entity m is port (x : in bit); end;
architecture a of m is
begin
end;
entity t is end;
architecture a of t is
  component m port (y : in bit); end component; --! port
  signal s : bit;
begin
  u : m port map (s);
end;
