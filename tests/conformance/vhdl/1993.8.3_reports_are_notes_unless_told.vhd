-- IEEE 1076-1993 clause 8.3: without a severity
entity t is end;
architecture a of t is
begin
  process begin
    report "plain";
    report "grave" severity error;
    wait;
  end process;
end;
--> note: plain
--> error: grave
