-- IEEE 1076-1993 clause 13.1: outside of comments and strings
entity t is end;
architecture a of t is
  signal s : bit := '0' ? '1'; --! unexpected
begin
end;
