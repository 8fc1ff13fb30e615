-- IEEE 1076-1993 clause 4.3.1.3: unless they are shared
entity t is end;
architecture a of t is
  variable v : integer; --! misplaced
begin
end;
