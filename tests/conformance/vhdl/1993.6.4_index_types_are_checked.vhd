-- IEEE 1076-1993 clause 6.4: a character does not index a vector
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0);
  signal b : bit;
begin
  b <= v('a'); --! type
end;
