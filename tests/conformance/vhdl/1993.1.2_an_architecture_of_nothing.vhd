-- IEEE 1076-1993 clause 1.2: its entity is not handed in
architecture a of nobody is --! no-entity
begin
end;
entity t is end;
architecture a of t is
begin
end;
