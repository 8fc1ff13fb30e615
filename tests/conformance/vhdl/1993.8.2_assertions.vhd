-- IEEE 1076-1993 clause 8.2: report when the condition is false
entity t is end;
architecture a of t is
begin
  process begin
    assert 1 = 1 report "not this";
    assert 1 = 2 report "this" severity warning;
    wait;
  end process;
end;
--> warning: this
