// IEEE 1800-2017 clause 23.9: a name that is declared inside hides the one around
module t;
  int n = 1;
  initial begin
    int n = 2;
    begin
      int n = 3;
      $write("%0d ", n);
    end
    $display("%0d %0d", n, t.n);
  end
endmodule
//> 3 2 1
