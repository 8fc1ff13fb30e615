-- IEEE 1076-1993 clause 10.3: from its declaration on
entity t is end;
architecture a of t is
  signal b : integer := c; --! undeclared
  constant c : integer := 1;
begin
end;
