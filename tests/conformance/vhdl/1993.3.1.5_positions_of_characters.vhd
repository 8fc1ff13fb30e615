-- IEEE 1076-1993 clause 3.1.5: the codes of the standard's character set
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(character'pos('A')) & character'image(character'val(98));
    wait;
  end process;
end;
--> note: 65'b'
