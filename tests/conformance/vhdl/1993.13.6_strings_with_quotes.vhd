-- IEEE 1076-1993 clause 13.6: two quotes in a string are one
entity t is end;
architecture a of t is
begin
  process begin
    report "say ""no""";
    wait;
  end process;
end;
--> note: say "no"
