-- IEEE 1076-1993 clause 7.1: nor does nor
entity t is end;
architecture a of t is
  signal p, q, r, s : bit;
begin
  s <= p nand q nand r; --! mixed-logic
end;
