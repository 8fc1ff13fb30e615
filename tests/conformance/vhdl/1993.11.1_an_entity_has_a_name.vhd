-- IEEE 1076-1993 clause 11.1: closing names match
entity t is end;
architecture a of t is
begin
end architecture b; --! end-name
