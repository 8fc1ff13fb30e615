-- IEEE 1076-1993 clause 7.3.2: an index that is given twice
entity t is end;
architecture a of t is
  type list is array (1 to 3) of integer;
  signal p : list := (1 => 0, 1 => 1, others => 2); --! aggregate
begin
end;
