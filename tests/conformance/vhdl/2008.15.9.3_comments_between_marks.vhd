-- IEEE 1076-2008 clause 15.9.3: /* and */
entity t is end;
architecture a of t is
begin
  process begin
    /* report "not here";
       nor here */
    report "here";
    wait;
  end process;
end;
--> note: here
