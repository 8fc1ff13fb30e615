-- IEEE 1076-1993 clause 7.3.5: to numbers
entity t is end;
architecture a of t is
  type state is (idle, run);
  signal s : state;
  signal i : integer;
begin
  i <= integer(s); --! conversion
end;
