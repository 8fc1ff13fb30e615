-- IEEE 1076-1993 clause 8.4: guarded outside of a block with a guard
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= guarded '1'; --! guarded
end;
