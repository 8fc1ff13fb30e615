-- IEEE 1076-1993 clause 11.1: where the statement ends
entity t is end;
architecture a of t is
  signal s : bit --! missing-semicolon
begin
end;
