-- IEEE 1076-1993 clause 7.2.4: of arrays and elements
entity t is end;
architecture a of t is
  signal v : bit_vector(0 to 4);
begin
  v <= '1' & "00" & bit_vector'("11");
  process begin
    wait for 1 ns;
    report bit'image(v(0)) & bit'image(v(1)) & bit'image(v(4)) & integer'image(v'length);
    wait;
  end process;
end;
--> note: '1''0''1'5
