-- IEEE 1076-1993 clause 3.2.1: every use is checked
entity t is end;
architecture a of t is
  signal v : bit_vector(3 downto 0);
begin
  process
    variable i : integer := 4;
  begin
    report bit'image(v(i)); --! outside
    wait;
  end process;
end;
