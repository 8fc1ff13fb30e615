-- IEEE 1076-1993 clause 3.2.2: a name that the record does not have
entity t is end;
architecture a of t is
  type point is record
    x, y : integer;
  end record;
  signal p : point;
  signal z : integer;
begin
  z <= p.z; --! no-field
end;
