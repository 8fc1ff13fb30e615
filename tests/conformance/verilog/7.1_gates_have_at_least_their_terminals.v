// IEEE 1364-2005 clause 7.1: an and gate without inputs
module t;
  wire y;
  and g(y); //! gate-count
endmodule
