-- IEEE 1076-1993 clause 13.3.2: between backslashes capitals count, and so do reserved words
entity t is end;
architecture a of t is
  signal \end\ : integer := 1;
  signal \END\ : integer := 2;
begin
  process begin
    report integer'image(\end\) & integer'image(\END\);
    wait;
  end process;
end;
--> note: 12
