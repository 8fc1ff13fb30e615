-- IEEE 1076-1993 clause 5.1: is not given
entity t is end;
architecture a of t is
  attribute weight : integer;
  signal s : bit;
  attribute weight of s : constant is 12; --! attribute
begin
end;
