-- IEEE 1076-1993 clause 13.4: bases from 2 to 16, with an exponent of the base
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(16#ff#) & " " & integer'image(2#1010#) & " " & integer'image(16#1#e2) & " " & integer'image(1e3);
    wait;
  end process;
end;
--> note: 255 10 256 1000
