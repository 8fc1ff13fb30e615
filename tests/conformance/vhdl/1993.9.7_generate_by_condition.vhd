-- IEEE 1076-1993 clause 9.7: when it is true
entity t is end;
architecture a of t is
  constant wide : boolean := false;
begin
  y : if wide generate
    process begin
      report "wide";
      wait;
    end process;
  end generate;
  n : if not wide generate
    process begin
      report "narrow";
      wait;
    end process;
  end generate;
end;
--> note: narrow
