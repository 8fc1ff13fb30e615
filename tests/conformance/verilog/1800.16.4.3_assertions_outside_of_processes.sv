// IEEE 1800-2017 clause 16.4.3: a deferred assertion may stand in the module by itself
module t;
  logic [1:0] grant = 0;
  one: assert final ($onehot0(grant)) else $error("%b at %0t", grant, $time);
  initial begin
    #1 grant = 1;
    #1 grant = 3;
    #1 grant = 2;
  end
endmodule
//> error: 11 at 2
