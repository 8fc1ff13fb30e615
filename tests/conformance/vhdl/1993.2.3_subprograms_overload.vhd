-- IEEE 1076-1993 clause 2.3: by types of parameters and results
entity t is end;
architecture a of t is
  function size(i : integer) return integer is begin return 1; end;
  function size(b : boolean) return integer is begin return 2; end;
begin
  process begin
    report integer'image(size(3)) & integer'image(size(true));
    wait;
  end process;
end;
--> note: 12
