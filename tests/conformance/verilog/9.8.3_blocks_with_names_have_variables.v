// IEEE 1364-2005 clause 9.8.3: which live as long as the run
module t;
  initial begin : outer
    integer i;
    for (i = 0; i < 2; i = i + 1) begin : inner
      integer n;
      if (i == 0) n = 5; else n = n + 1;
      $write("%0d ", n);
    end
    $display("%0d", outer.inner.n);
  end
endmodule
//> 5 6 6
