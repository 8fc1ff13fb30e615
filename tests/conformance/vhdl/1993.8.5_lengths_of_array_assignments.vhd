-- IEEE 1076-1993 clause 8.5: are the same
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0);
begin
  v <= "101"; --! width
end;
