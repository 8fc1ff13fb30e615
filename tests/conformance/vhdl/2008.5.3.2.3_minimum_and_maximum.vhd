-- IEEE 1076-2008 clause 5.3.2.3: come with every scalar type
entity t is end;
architecture a of t is
begin
  process begin
    report integer'image(minimum(3, 5)) & integer'image(maximum(3, 5));
    wait;
  end process;
end;
--> note: 35
