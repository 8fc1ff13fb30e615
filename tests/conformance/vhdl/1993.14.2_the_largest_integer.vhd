-- IEEE 1076-1993 clause 14.2: has 31 bits
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(integer'high) & " " & integer'image(natural'low) & " " & integer'image(positive'low);
    wait;
  end process;
end;
--> note: 2147483647 0 1
