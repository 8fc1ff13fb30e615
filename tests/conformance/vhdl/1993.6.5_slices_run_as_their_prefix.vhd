-- IEEE 1076-1993 clause 6.5: a slice in the other direction is an error
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0);
  signal w : bit_vector(1 downto 0);
begin
  w <= v(0 to 1); --! slice-direction
end;
