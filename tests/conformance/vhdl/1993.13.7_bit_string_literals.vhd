-- IEEE 1076-1993 clause 13.7: octal and hexadecimal digits become bits, underscores count for nothing
entity t is end;
architecture a of t is
  signal v : bit_vector(11 downto 0) := X"0_F5";
  signal w : bit_vector(5 downto 0) := O"52";
begin
  process begin
    report bit'image(v(7)) & bit'image(v(3)) & bit'image(v(0)) & " " & bit'image(w(5)) & bit'image(w(0));
    wait;
  end process;
end;
--> note: '1''0''1' '1''0'
