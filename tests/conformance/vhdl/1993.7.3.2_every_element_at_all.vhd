-- IEEE 1076-1993 clause 7.3.2: a record aggregate that leaves one out
entity t is end;
architecture a of t is
  type point is record
    x, y : integer;
  end record;
  signal p : point := (x => 1); --! aggregate
begin
end;
