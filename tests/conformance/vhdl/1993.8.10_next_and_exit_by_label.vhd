-- IEEE 1076-1993 clause 8.10: of an outer loop
entity t is end;
architecture a of t is
begin
  process begin
    outer : for i in 0 to 5 loop
      for j in 0 to 5 loop
        next outer when j > i;
        exit outer when i = 2;
        report integer'image(i) & integer'image(j);
      end loop;
    end loop;
    wait;
  end process;
end;
--> note: 00
--> note: 10
--> note: 11
