-- IEEE 1076-1993 clause 9.6: it cannot be left open
entity m is
  port (x : in bit; z : out bit);
end;
architecture a of m is
begin
  z <= x;
end;
entity t is end;
architecture a of t is
  signal q : bit;
begin
  u : entity work.m port map (z => q); --! open-input
end;
