-- IEEE 1076-1993 clause 7.1: without brackets
entity t is end;
architecture a of t is
  signal p, q, r, s : bit;
begin
  s <= p and q or r; --! mixed-logic
end;
