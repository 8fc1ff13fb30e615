-- IEEE 1076-1993 clause 8.2: without a severity, and without a text of their own
entity t is end;
architecture a of t is
begin
  process begin
    assert false;
    wait;
  end process;
end;
--> error: Assertion violation.
