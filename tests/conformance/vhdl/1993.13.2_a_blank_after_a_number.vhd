-- IEEE 1076-1993 clause 13.2: 10ns is two tokens all the same, with a blank it is sure
entity t is end;
architecture a of t is
begin
  process begin
    wait for 10 ns;
    report integer'image(now / 1 ns);
    wait;
  end process;
end;
--> note: 10
