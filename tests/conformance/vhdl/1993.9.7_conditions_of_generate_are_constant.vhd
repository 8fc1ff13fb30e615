-- IEEE 1076-1993 clause 9.7: a signal decides nothing
entity t is end;
architecture a of t is
  signal s : boolean;
begin
  g : if s generate --! constant
    process begin
      wait;
    end process;
  end generate;
end;
