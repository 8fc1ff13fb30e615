-- IEEE 1076-1993 clause 9.2: each from its own beginning
entity t is end;
architecture a of t is
begin
  process begin
    wait for 2 ns;
    report "two";
    wait;
  end process;
  process begin
    wait for 1 ns;
    report "one";
    wait;
  end process;
end;
--> note: one
--> note: two
