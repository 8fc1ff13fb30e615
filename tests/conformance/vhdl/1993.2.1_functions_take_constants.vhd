-- IEEE 1076-1993 clause 2.1: parameters of a function are not assigned
entity t is end;
architecture a of t is
  function f(i : integer) return integer is
  begin
    i := 3; --! constant
    return i;
  end;
begin
end;
