-- IEEE 1076-1993 clause 10.3: in one region
entity t is end;
architecture a of t is
  signal s : bit;
  signal s : integer; --! redeclared
begin
end;
