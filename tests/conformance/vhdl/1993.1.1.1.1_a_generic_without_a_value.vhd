-- IEEE 1076-1993 clause 1.1.1.1: has neither
entity m is
  generic (width : positive); --! generic
end;
architecture a of m is
begin
end;
entity t is end;
architecture a of t is
begin
  u : entity work.m;
end;
