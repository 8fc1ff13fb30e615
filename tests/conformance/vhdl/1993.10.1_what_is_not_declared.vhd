-- IEEE 1076-1993 clause 10.1: is an error where it is used
entity t is end;
architecture a of t is
  signal s : bit;
begin
  s <= nobody; --! undeclared
end;
