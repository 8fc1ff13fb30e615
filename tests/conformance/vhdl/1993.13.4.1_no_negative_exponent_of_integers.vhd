-- IEEE 1076-1993 clause 13.4.1: 1e-3 is no integer literal
entity t is end;
architecture a of t is
  constant c : integer := 1e-3; --! bad-number
begin
end;
