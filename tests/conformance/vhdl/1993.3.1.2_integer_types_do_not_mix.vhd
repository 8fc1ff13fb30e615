-- IEEE 1076-1993 clause 3.1.2: each declaration makes a type of its own
entity t is end;
architecture a of t is
  type apples is range 0 to 10;
  type pears is range 0 to 10;
  signal x : apples;
  signal y : pears;
begin
  x <= y; --! type
end;
