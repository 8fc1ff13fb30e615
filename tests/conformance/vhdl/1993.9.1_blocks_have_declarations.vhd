-- IEEE 1076-1993 clause 9.1: that hide those around
entity t is end;
architecture a of t is
  signal s : integer := 1;
begin
  b : block
    signal s : integer := 2;
  begin
    process begin
      report integer'image(s);
      wait;
    end process;
  end block;
end;
--> note: 2
