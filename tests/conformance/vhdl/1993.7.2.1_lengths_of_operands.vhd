-- IEEE 1076-1993 clause 7.2.1: of a logical operator are the same
entity t is end;
architecture a of t is
  signal p : bit_vector(3 downto 0);
  signal q : bit_vector(2 downto 0);
  signal r : bit_vector(3 downto 0);
begin
  r <= p and q; --! run
end;
