-- IEEE 1076-2008 clause 11.9: elsif and else
entity t is end;
architecture a of t is
  constant n : integer := 2;
begin
  g : if n = 1 generate
    process begin
      report "one";
      wait;
    end process;
  elsif n = 2 generate
    process begin
      report "two";
      wait;
    end process;
  else generate
    process begin
      report "more";
      wait;
    end process;
  end generate;
end;
--> note: two
