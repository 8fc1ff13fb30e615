-- IEEE 1076-1993 clause 9.7: that names what is generated
entity t is end;
architecture a of t is
  signal v : bit_vector(1 downto 0);
begin
  for i in v'range generate --! label
    v(i) <= '1';
  end generate;
end;
